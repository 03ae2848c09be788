<script lang="ts"></script>

<div class="p-6">
	<h1 class="text-xl">There is no such place.</h1>
	<p class="mt-2"><a href="/" class="underline">Back to the floor</a></p>
</div>
