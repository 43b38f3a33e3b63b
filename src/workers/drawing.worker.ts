import { checkShapes } from '../core/outline';
import { listRegions } from '../core/planar';
import type { DrawingOperations } from './drawing-operations';
import { serve } from './serve';

serve<DrawingOperations>({
  checkShapes: async ({ shapes, limits }) => checkShapes(shapes, limits),
  listRegions: async ({ pieces, tolerance }) => listRegions(pieces, tolerance),
});
