// Loaded first by a thread of tests: takes types off whatever it imports after that.
import { register } from 'tsx/esm/api';

register();
