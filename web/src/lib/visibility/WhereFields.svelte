<script lang="ts">
  import FigureField from '$lib/ui/FigureField.svelte';

  /** Where something of the site is, within a sentence. */
  interface Where {
    readonly xM: number;
    readonly yM: number;
    readonly zM: number;
  }
  let { xM, yM, zM, onset }: Where & { onset: (where: Partial<Where>) => void } = $props();
</script>

<FigureField
  label="Ahead of the origin, m"
  value={xM}
  min={-60}
  max={60}
  whole={false}
  onset={(m: number) => onset({ xM: m })}
/> m ahead,
<FigureField
  label="To the left of the middle, m"
  value={yM}
  min={-60}
  max={60}
  whole={false}
  onset={(m: number) => onset({ yM: m })}
/> m to the left,
<FigureField
  label="Above the ground, m"
  value={zM}
  min={0}
  max={30}
  whole={false}
  onset={(m: number) => onset({ zM: m })}
/> m up
