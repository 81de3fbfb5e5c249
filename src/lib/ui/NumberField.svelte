<!-- A number that is typed: both decimal signs are taken; what is no number or lies outside is refused aloud, and the old one stays. -->
<script lang="ts">
  import { tick } from 'svelte';
  import Field from './Field.svelte';
  import type { HTMLInputAttributes } from 'svelte/elements';
  import { show, typedNumber } from '../../../core/language/values.ts';
  import { say } from '../../../core/words.ts';
  let {
    value = $bindable(),
    element = $bindable(),
    put,
    empty,
    min = -Infinity,
    max = Infinity,
    step = 1,
    live = false,
    size,
    class: own = '',
    ...rest
  }: {
    value: number;
    element?: HTMLInputElement;
    /** gets the number; without it the bound value does */
    put?: (n: number) => void;
    /** it may be left empty: told when it is */
    empty?: () => void;
    min?: number;
    max?: number;
    step?: number;
    /** every number on the way counts, not only the one that is left standing */
    live?: boolean;
    size?: 'md' | 'sm' | 'none';
    class?: string;
  } & Omit<HTMLInputAttributes, 'value' | 'type' | 'min' | 'max' | 'step' | 'class' | 'size'> = $props();
  let trouble = $state('');
  const shown = $derived(Number.isFinite(value) ? show(value) : '');
  function give(n: number) {
    trouble = '';
    if (put) put(n);
    else value = n;
  }
  const fits = (n: number | undefined): n is number => n !== undefined && n >= min && n <= max;
  function take(input: HTMLInputElement) {
    const text = input.value.trim();
    const n = typedNumber(text);
    if (text === '' && empty) empty();
    else if (fits(n)) give(n);
    else {
      trouble =
        n === undefined
          ? say('{text} is not a number: it was not taken.', { text: text ? `"${text}"` : '""' })
          : max === Infinity
            ? say('It begins at {min}; {text} was not taken.', { min, text })
            : say('It goes from {min} to {max}; {text} was not taken.', { min, max, text });
    }
    // what is in force is what stands there, once it has come round
    void tick().then(() => (input.value = shown));
  }
  function keys(e: KeyboardEvent & { currentTarget: HTMLInputElement }) {
    const way = e.key === 'ArrowUp' ? 1 : e.key === 'ArrowDown' ? -1 : 0;
    if (!way) return;
    e.preventDefault();
    const from = typedNumber(e.currentTarget.value) ?? value;
    const next = Math.round((from + way * step * (e.shiftKey ? 10 : 1)) * 1e6) / 1e6;
    if (fits(next)) give(next);
  }
</script>

<span class="relative inline-block"
  ><Field
    bind:element
    {size}
    class={own}
    inputmode="decimal"
    role="spinbutton"
    autocomplete="off"
    aria-valuenow={Number.isFinite(value) ? value : undefined}
    aria-valuemin={min === -Infinity ? undefined : min}
    aria-valuemax={max === Infinity ? undefined : max}
    aria-invalid={trouble ? true : undefined}
    value={shown}
    oninput={(e) => {
      trouble = '';
      const n = typedNumber(e.currentTarget.value);
      if (live && fits(n) && n !== value) give(n);
    }}
    onchange={(e) => take(e.currentTarget)}
    onkeydown={keys}
    onblur={() => setTimeout(() => (trouble = ''), 4000)}
    {...rest}
  />{#if trouble}<span
      class="absolute top-full right-0 z-40 mt-0.5 w-max max-w-[220px] rounded-md border border-clay bg-card px-2 py-1 text-left font-sans text-[12px] text-ink shadow"
      role="alert">{trouble}</span
    >{/if}</span
>
