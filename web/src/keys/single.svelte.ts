// Whether keys of one letter do something: who speaks to the machine, or rests a hand on the keys, turns them off.
const KEPT = 'zymon.keys';

class SingleKeys {
  on = $state(localStorage.getItem(KEPT) !== 'off');

  turn(on: boolean): void {
    this.on = on;
    localStorage.setItem(KEPT, on ? 'on' : 'off');
  }
}

export const singleKeys = new SingleKeys();
