import { useCallback, useRef, useState } from "react";

/** The width of an element in CSS pixels, kept as it changes. */
export function useWidth<T extends HTMLElement>(): [(node: T | null) => void, number] {
  const [width, setWidth] = useState(1200);
  const watcher = useRef<ResizeObserver | null>(null);
  const ref = useCallback((node: T | null) => {
    watcher.current?.disconnect();
    if (!node) return;
    watcher.current = new ResizeObserver(([entry]) => {
      if (entry) setWidth(entry.contentRect.width);
    });
    watcher.current.observe(node);
    setWidth(node.getBoundingClientRect().width);
  }, []);
  return [ref, width];
}
