export const wait = (ms: number) => new Promise((done) => setTimeout(done, ms));
