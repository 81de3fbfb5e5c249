/** Keys of the computer that go to the program while the yard has the focus. */
import { keyName } from '../program/blockly/keys.ts';
import type { Input } from '../../../../core/trace/trace.ts';

export class KeysDown {
  /** keys that are down, so that none stays down when the focus goes */
  private readonly down = new Set<string>();
  constructor(private readonly to: { readonly takesInput: boolean; give(input: Input): void }) {}

  key(event: KeyboardEvent, down: boolean): void {
    const key = keyName(event.key);
    if (!this.to.takesInput || !key || event.ctrlKey || event.metaKey || event.altKey) return;
    event.preventDefault();
    event.stopPropagation();
    if (event.repeat) return;
    if (down) this.down.add(key);
    else this.down.delete(key);
    this.to.give({ key, down });
  }
  letGo(): void {
    for (const key of this.down) this.to.give({ key, down: false });
    this.down.clear();
  }
}
