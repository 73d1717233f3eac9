import { nearestOf } from '../../nearest';
import { KNOWN_WORDS } from './vocabulary';

/** The known word that a misspelt one most likely is; null for none. */
export const nearestWord = (word: string): string | null => nearestOf(word, KNOWN_WORDS);
