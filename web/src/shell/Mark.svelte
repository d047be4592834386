<script lang="ts">
  // The cross-section: our sign.
  let { size = 30 }: { size?: number } = $props();
</script>

<svg width={size} height={size} viewBox="0 0 32 32" aria-hidden="true">
  <circle cx="16" cy="16" r="15" fill="#efe9dc" />
  <circle cx="16" cy="16" r="13.2" fill="#6d2430" />
  <circle cx="16" cy="16" r="10.6" fill="#94404a" />
  <circle cx="16" cy="16" r="6.6" fill="#b9646a" />
  <g fill="#f3e6d4">
    <ellipse cx="12" cy="11" rx="1.7" ry="1.1" /><ellipse cx="20.5" cy="12.5" rx="1.2" ry="1.7" />
    <ellipse cx="17" cy="18" rx="1.8" ry="1" /><ellipse cx="10.5" cy="18.5" rx="1.1" ry="1.5" />
    <ellipse cx="20" cy="21.5" rx="1.6" ry="1" />
  </g>
</svg>
