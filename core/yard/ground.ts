/**
 * The force between a wheel and the floor: proportional to slip (viscous slip model), taken implicitly so that a tick of
 * 1 ms is stable, and never beyond the friction circle mu N (Coulomb; circle as in vehicle dynamics handbooks).
 */
export const SLIP = 200; // N s/m a wheel

/**
 * @param slip rim speed minus ground speed along the wheel, m/s
 * @param side ground speed across the wheel, m/s
 * @param rim r^2 / J of the wheel, 1/kg
 * @param perMass 2 / m of the robot, 1/kg
 * @param limit mu N, N
 * @param out force along and across the wheel, N, and whether it slips
 */
export function groundForce(
  slip: number,
  side: number,
  rim: number,
  perMass: number,
  dt: number,
  limit: number,
  out: { along: number; across: number; slips: boolean }
): void {
  let along = (SLIP * slip) / (1 + SLIP * dt * (rim + perMass));
  let across = (-SLIP * side) / (1 + SLIP * dt * perMass);
  const size2 = along * along + across * across;
  out.slips = size2 > limit * limit;
  if (out.slips) {
    const share = limit / Math.sqrt(size2);
    along *= share;
    across *= share;
  }
  out.along = along;
  out.across = across;
}
