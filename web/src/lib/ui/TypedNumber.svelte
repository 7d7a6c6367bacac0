<script lang="ts">
  import { TextInput } from 'carbon-components-svelte';

  /** A typed value with its unit; it takes effect on Enter or on leaving the field, and Esc brings the old one back. */
  let {
    label,
    unit,
    value,
    min,
    max,
    refuse = () => '',
    onset,
    onreach = () => undefined,
  }: {
    label: string;
    unit: string;
    value: number;
    min: number;
    max: number;
    /** Why a value within its range cannot be; empty when it can. */
    refuse?: (value: number) => string;
    onset: (value: number) => void;
    /** The field was entered, or left. */
    onreach?: (entered: boolean) => void;
  } = $props();

  let typed = $state<string | null>(null);
  const shown = $derived(typed ?? String(Math.round(value * 10) / 10));
  const wrong = $derived.by(() => {
    if (typed === null) return '';
    const n = Number(typed);
    if (typed.trim() === '' || !Number.isFinite(n)) return 'enter a number';
    return n < min || n > max ? `${min} to ${max}` : refuse(n);
  });

  function commit(): void {
    const text = typed;
    if (text !== null && wrong === '') {
      typed = null;
      if (Number(text) !== Number(String(Math.round(value * 10) / 10))) onset(Number(text));
    }
  }
</script>

<TextInput
  size="sm"
  labelText="{label}, {unit}"
  value={shown}
  invalid={wrong !== ''}
  invalidText={wrong}
  on:input={(event) => (typed = String(event.detail ?? ''))}
  on:focus={() => onreach(true)}
  on:blur={() => {
    commit();
    typed = null;
    onreach(false);
  }}
  on:keydown={(event) => {
    if (event.key === 'Enter') commit();
    if (event.key === 'Escape') typed = null;
  }}
/>
