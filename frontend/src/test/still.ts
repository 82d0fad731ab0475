import { vi } from "vitest";

/** Every element as wide as a bench's screen, and never another width; undone with the other stubs and mocks. */
export function stillWide(): void {
  vi.stubGlobal(
    "ResizeObserver",
    class {
      observe() {
        // Nothing is resized here.
      }
      unobserve() {
        // One thing alone is never let go.
      }
      disconnect() {
        // Nor is anything watched.
      }
    },
  );
  vi.spyOn(Element.prototype, "getBoundingClientRect").mockReturnValue(new DOMRect(0, 0, 1200, 40));
}

/** A window as wide as a bench's screen, which never becomes another. */
export const wide = () => ({
  matches: false,
  addEventListener() {
    // It stays as it is.
  },
  removeEventListener() {
    // Nobody was told of anything.
  },
});
