<script lang="ts">
  import { words } from '../words';
</script>

<p class="p-8 text-lg">{words.errors.notFound} <a class="underline" href="/">{words.stations.hang}</a></p>
