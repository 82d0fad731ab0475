import { configure } from "@testing-library/react";

// What is waited for comes or does not; how soon is the machine's affair.
configure({ asyncUtilTimeout: 15_000 });

// What is painted is looked at where a test gives the canvas a pen; elsewhere there is none.
if (typeof HTMLCanvasElement !== "undefined") HTMLCanvasElement.prototype.getContext = () => null;
