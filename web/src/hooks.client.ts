import '$lib/withoutEval';
