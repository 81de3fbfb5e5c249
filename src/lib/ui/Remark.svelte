<!-- What a person should know: what is wrong and what to do, as a box, a bar across a pane, or a line. -->
<script lang="ts">
  import type { Snippet } from 'svelte';
  import type { HTMLAttributes } from 'svelte/elements';
  import Alert from 'flowbite-svelte/Alert.svelte';
  const LOOKS = {
    box: 'rounded-[10px] border px-3 py-[9px]',
    bar: 'flex items-center gap-3 border-b px-4 py-1.5',
    line: 'bg-transparent'
  };
  const TONES = {
    /** something is wrong */
    clay: 'border-[var(--clayrule)] bg-[var(--claywash)] text-clay',
    /** to be read, in the colour of what is wrong */
    ink: 'border-[var(--clayrule)] bg-[var(--claywash)] text-ink',
    calm: 'border-rule bg-paper text-ink',
    moss: 'border-transparent bg-[var(--mosswash)] text-moss'
  };
  let {
    look = 'box',
    tone = 'clay',
    role = 'alert',
    class: own = '',
    children,
    ...rest
  }: {
    look?: keyof typeof LOOKS;
    tone?: keyof typeof TONES;
    /** an alert is read aloud when it comes */
    role?: 'alert' | 'status' | undefined | null;
    class?: string;
    children: Snippet;
  } & Omit<HTMLAttributes<HTMLDivElement>, 'class' | 'role' | 'children'> = $props();
  /** none of the library's colours, and it is there at once */
  const plain = { color: 'none', rounded: false, params: { duration: 0 } } as object;
</script>

<Alert {...rest as object} {...plain} {role} class="p-0 text-[length:inherit] {TONES[tone]} {LOOKS[look]} {own}"
  >{@render children()}</Alert
>
