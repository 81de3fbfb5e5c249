import { cases } from '../../../testing/cases.ts';

cases('routine-calls-itself-for-ever', {
  fires: {
    itself: `def again():
    beep()
    again()


def main():
    again()


run(main)`,
    'by way of another': `def tick():
    tock()


def tock():
    tick()


def main():
    tick()


run(main)`,
    'in a loop for ever': `def again():
    while True:
        wait(1)
        again()


def main():
    again()


run(main)`
  },
  silent: {
    'where it may have given back before': `def down(left):
    if left < 1:
        return 0
    down(left - 1)


def main():
    down(3)


run(main)`,
    'only if': `def down(left):
    if left > 0:
        down(left - 1)


def main():
    down(3)


run(main)`
  }
});
