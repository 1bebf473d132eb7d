import base from '../playwright.config.ts';
export default { ...base, testDir: '../tests', workers: 1, globalSetup: undefined, outputDir: '/tmp/e2eout', retries: 0, reporter: 'list' };
