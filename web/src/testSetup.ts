import { configure } from "@testing-library/react";

// Tests read dates as they are written in Britain, wherever they run; beside the Go tests a form takes its time.
if (globalThis.navigator)
  Object.defineProperty(globalThis.navigator, "languages", { value: ["en-GB"], configurable: true });
configure({ asyncUtilTimeout: 8000 });
