import { readingHandler } from '../readings/readingHandler';
import { previewExpression } from './preview';

export const expressionReading = readingHandler('expression', previewExpression);
