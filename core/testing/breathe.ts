import { afterEach } from "vitest";

// Long computations hold the process; between tests the runner gets to hear from it, or it takes it for dead.
afterEach(() => new Promise<void>((done) => setTimeout(done, 5)));
