export * from './ids';
export * from './account';
export * from './source';
export * from './annotation';
export * from './class';
export * from './find';
export * from './version';
