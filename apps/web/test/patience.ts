// What a page does within a moment takes several on a busy machine: nothing is found faster by giving up sooner.
if (typeof document !== 'undefined') {
  const { configure } = await import('@testing-library/react');
  configure({ asyncUtilTimeout: 15_000, defaultHidden: true });
}

export {};
