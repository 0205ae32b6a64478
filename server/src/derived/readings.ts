import { reading } from '../readings/reading';
import { previewExpression } from './preview';

export const expressionReading = reading('expression', previewExpression);
