<!-- Who is signed in, on the bar at the top: the way in, and the way out. -->
<script lang="ts">
  import ChevronDown from '@lucide/svelte/icons/chevron-down';
  import { goto, invalidateAll } from '$app/navigation';
  import { page } from '$app/state';
  import { say } from '../../../core/words.ts';
  import Button from '../ui/Button.svelte';
  import Menu from '../ui/Menu.svelte';
  import MenuItem from '../ui/MenuItem.svelte';
  import { ask } from './ask.ts';
  import type { Signed } from './class.ts';
  const me = $derived(page.data.me as Signed | undefined);
  async function out(everywhere = false) {
    await ask(`/api/session${everywhere ? '?everywhere' : ''}`, 'DELETE');
    await invalidateAll();
    await goto('/');
  }
</script>

{#if me && me.role !== 'guest'}
  {#if me.role === 'teacher' && !page.url.pathname.startsWith('/class')}<Button look="ghost" href="/class"
      >{say('Classes')}</Button
    >{/if}
  {@const name = `${me.nickname}${me.class ? ` · ${me.class}` : ''}`}
  <Menu look="ghost" label={say('Signed in as {name}', { name })}>
    {#snippet face()}<span class="max-w-[240px] truncate" data-testid="me">{name}</span><ChevronDown
        size={14}
      />{/snippet}
    <MenuItem onclick={() => out()}>{say('Sign out')}</MenuItem>
    <MenuItem onclick={() => out(true)}>{say('Sign out everywhere')}</MenuItem>
    <MenuItem href="/kept">{say('What is kept')}</MenuItem>
  </Menu>
{:else if me}<Button look="ghost" href="/sign-in">{say('Sign in')}</Button>{/if}
