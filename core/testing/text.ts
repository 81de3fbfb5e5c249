/** Programs written down as text, for tests: the names of parts and variables need not be said each time. */
import { barrow, hauler, saucer, type Kit } from '../kit/kit.ts';
import { THINGS } from '../language/python/print.ts';
import { readPython } from '../language/python/read.ts';
import type { Program } from '../language/program.ts';

const HEADS: Record<Kit['device'], string> = {
  barrow: `distance = Distance("J7")
left_line = Line("J8")
right_line = Line("J9")
left_wheel = Motor("J1")
right_wheel = Motor("J2")
striker = Servo("J4")
pan = Servo("J5")
servo_w = Servo("J6")
motor_r = Motor("J3")
motor_u = Motor("J4")
gyro = Gyro()
nose = Nose()
wheels = Wheels(left="J1", right="J2", diameter_mm=68, track_mm=124)
`,
  saucer: `distance = Distance("J4")
middle_line = Line("J5")
gyro = Gyro()
rim = Rim()
one_lamp = Lamp("one")
two_lamp = Lamp("two")
three_lamp = Lamp("three")
four_lamp = Lamp("four")
five_lamp = Lamp("five")
six_lamp = Lamp("six")
wheels = ${THINGS.wheels(saucer)}
`,
  hauler: `distance = Distance("J7")
willow = Motor("J1")
alder = Motor("J2")
bed = Servo("J5")
gyro = Gyro()
nose = Nose()
wheels = ${THINGS.wheels(hauler)}
`,
  trowel: 'vent = Servo("J1")\n'
};
const COMMON = `display = Display()
left_lamp = Lamp("left")
right_lamp = Lamp("right")
dot = Button("Dot")
bar = Button("Bar")
count = 0
side = 0
n = 0
speed = 0
things = []
`;

/** @param text functions and the run line; or only what stands below "at the start" */
export function fromText(text: string, kit: Kit = barrow): Program {
  const whole = /^(def|async def) /m.test(text)
    ? text
    : `def main():\n    global count, side, n, speed\n${text
        .split('\n')
        .map((line) => (line.trim() ? `    ${line}` : ''))
        .join('\n')}\n\n\nrun(main)`;
  const read = readPython(`from mossbell import *\n\n${HEADS[kit.device]}${COMMON}\n\n${whole}\n`);
  if (!read.ok) throw new Error(`${text}\n${read.problems.map((p) => `${p.line}: ${p.message}`).join('\n')}`);
  const { program } = read;
  const used = JSON.stringify([program.stacks, program.routines]);
  return { ...program, variables: program.variables.filter((v) => used.includes(`"${v.id}"`)) };
}
