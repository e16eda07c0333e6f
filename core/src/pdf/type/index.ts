export * from './fonts';
export * from './text-operators';
export * from './type-tools';
export * from './used-faces';
