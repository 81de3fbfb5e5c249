import { cases } from '../../../testing/cases.ts';

cases('routine-never-called', {
  fires: {
    one: `def song():
    beep()


def main():
    wait(1)


run(main)`
  },
  silent: {
    called: `def song():
    beep()


def main():
    song()


run(main)`,
    'called by another routine': `def note():
    beep()


def song():
    note()


def main():
    song()


run(main)`
  }
});
