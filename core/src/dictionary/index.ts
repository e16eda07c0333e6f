export * from './base-forms';
export * from './sorted-lines';
export * from './synset';
export * from './wordnet';
export * from './wanted-word';
export * from './added';
