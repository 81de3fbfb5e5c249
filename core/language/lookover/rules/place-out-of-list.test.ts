import { cases } from '../../../testing/cases.ts';

cases('place-out-of-list', {
  fires: {
    'the last one, counted from 1': `put_at_end(3, things)
put_at_end(1, things)
log(place_of(2, things))`,
    'a new list': `log(place_of(3, [5, 6, 7]))`,
    'how many there are': `put_at_end(3, things)
log(place_of(whole(how_many(things)), things))`,
    'a loop from 1': `put_at_end(3, things)
for n in from_to(1, how_many(things), 1):
    log(place_of(whole(n), things))`,
    'swapped beyond': `put_at_end(3, things)
swap_at(1, things, 4)`
  },
  silent: {
    'the last one': `put_at_end(3, things)
put_at_end(1, things)
log(place_of(1, things))`,
    'a list that grows in a loop': `for _ in range(5):
    put_at_end(distance.cm(), things)
    wait(0.1)
log(place_of(4, things))`,
    'from 0 to one less': `put_at_end(3, things)
for n in from_to(0, how_many(things) - 1, 1):
    log(place_of(whole(n), things))`
  }
});
