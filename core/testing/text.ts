/** Programs written down as text, for tests: the names of parts and variables need not be said each time. */
import { barrow, type Kit } from '../kit/kit.ts';
import { readPython } from '../language/python/read.ts';
import type { Program } from '../language/program.ts';

const HEADS: Record<Kit['device'], string> = {
  barrow: `distance = Distance("10")
left_line = Line("20")
right_line = Line("30")
left_wheel = Motor("P")
right_wheel = Motor("Q")
striker = Servo("U")
pan = Servo("V")
servo_w = Servo("W")
motor_r = Motor("R")
motor_u = Motor("U")
gyro = Gyro()
nose = Nose()
wheels = Wheels(left="P", right="Q", diameter_mm=68, track_mm=124)
`,
  trowel: 'vent = Servo("U")\n'
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
