/** The rooms of core whose tests are held against mutants, those that are quickly run first. */
export const ROOMS = ['state', 'timing', 'coverage', 'rules'];
