/** What a finding says in words: one file for each kind of sentence. */
export { blindHeadline, headline, untested } from './headline';
export { basisText, measureLabel, methodText } from './methodText';
export { type Note, notes } from './notes';
export { sayEstimate, sayInterval, sayPair } from './sayContrast';
export { againstControl, isSoFar } from '../account/outcomes';
export { sayOpenRound, warningsOf } from './warnings';
