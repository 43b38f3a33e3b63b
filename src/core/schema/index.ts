import { z } from 'zod';
import { FARTHEST } from '../basics';

// Schemas are not compiled to code: the page's policy lets nothing of the kind run, and trying it is refused at every start.
z.config({ jitless: true });

/** A number that is one, and not beyond all bounds: see `isWithinReach`. */
const Amount = z.number().min(-FARTHEST).max(FARTHEST);

export { Amount, z };
