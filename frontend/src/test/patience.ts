import { configure } from "@testing-library/react";

// What is waited for comes or does not; how soon is the machine's affair.
configure({ asyncUtilTimeout: 15_000 });
