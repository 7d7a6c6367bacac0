<script lang="ts">
  /** Hatchings that the sheet fills areas with. */
</script>

<defs>
  <pattern
    id="gap-hatch"
    width="0.09"
    height="0.09"
    patternUnits="userSpaceOnUse"
    patternTransform="rotate(45)"
  >
    <line x1="0" y1="0" x2="0" y2="0.09" stroke="var(--gap)" stroke-width="0.03" />
  </pattern>
  <pattern
    id="keep-out-hatch"
    width="0.07"
    height="0.07"
    patternUnits="userSpaceOnUse"
    patternTransform="rotate(-45)"
  >
    <line x1="0" y1="0" x2="0" y2="0.07" stroke="var(--gap)" stroke-width="0.012" />
  </pattern>
</defs>
