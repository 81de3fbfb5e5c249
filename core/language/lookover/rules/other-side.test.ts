import { cases } from '../../../testing/cases.ts';

const routine = (name: string, turn: string): string => `def ${name}():
    wheels.drive(cm=10, power=45, ending="brake")
    wheels.turn(${turn}=90, power=35, ending="brake")


def main():
    ${name}()


run(main)`;
cases('other-side', {
  fires: {
    'a routine that is called left': routine('corner_left', 'right'),
    'a routine that is called right': routine('right', 'left')
  },
  silent: {
    'the side that it says': routine('corner_left', 'left'),
    'no side in its name': routine('corner', 'right'),
    'a part of another word': routine('bright', 'left'),
    'both sides, as a wiggle has them': `def left_wiggle():
    wheels.turn(left=20, power=35, ending="brake")
    wheels.turn(right=40, power=35, ending="brake")


def main():
    left_wiggle()


run(main)`
  }
});
