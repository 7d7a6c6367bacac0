import fc from 'fast-check';

// The same examples in each run: a change is judged by itself. `npm run soak` draws others.
fc.configureGlobal({ seed: Number(process.env.SEED ?? 20_261_128) });
