import { z } from 'zod';

// Our content policy forbids code made from text. Schemas would try it each once, and the browser report it.
z.config({ jitless: true });
