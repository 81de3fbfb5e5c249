<!-- A line of text. With `onchange` or `oninput` the value that is given stands, as it does on a plain element; else bind it. -->
<script lang="ts">
  import type { HTMLInputAttributes } from 'svelte/elements';
  import Input from 'flowbite-svelte/Input.svelte';
  const LOOKS = {
    box: 'border border-rule bg-card text-ink focus:border-brass',
    /** a line that only shows that it can be written in when it is pointed at */
    line: 'border border-transparent bg-transparent hover:border-rule focus:border-rule',
    bare: 'border-0 bg-transparent p-0',
    colour: 'h-6 w-11! cursor-pointer border border-rule bg-card p-0.5'
  };
  const SIZES = { md: 'px-[9px] py-[5px]', sm: 'px-1.5 py-0.5', none: '' };
  let {
    value = $bindable(),
    element = $bindable(),
    look = 'box',
    size = look === 'box' ? 'md' : 'none',
    class: own = '',
    ...rest
  }: {
    value?: string;
    element?: HTMLInputElement;
    look?: keyof typeof LOOKS;
    size?: keyof typeof SIZES;
    class?: string;
  } & Omit<HTMLInputAttributes, 'size' | 'class' | 'value'> = $props();
  /** none of the library's sizes and colours: those here are all there are */
  const none = { size: 'none', color: 'none' } as object;
  let typed = $derived(value);
</script>

<Input
  type="text"
  {...rest as object}
  {...none}
  bind:value={
    () => typed,
    (v) => {
      typed = v as string;
      if (!rest.onchange && !rest.oninput) value = typed;
    }
  }
  bind:elementRef={element}
  class="inline-block w-auto! rounded-md pointer-coarse:min-h-10 {LOOKS[look]} {SIZES[size]} {own}"
/>
