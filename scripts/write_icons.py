"""The icons of a phone's home screen, from the drawing of the browser's tab: ``python -m scripts.write_icons``."""

import shutil
from pathlib import Path

from playwright.sync_api import sync_playwright

from scripts.shots import ARGS

PUBLIC = Path(__file__).resolve().parents[1] / "frontend" / "public"
# What home screens ask for, px; the last is that of a phone that reads no manifest.
SIZES = {"icon-192.png": 192, "icon-512.png": 512, "icon-180.png": 180}


def main() -> None:
    """Draw each size. The ground runs to the edge: home screens cut their own corners."""
    drawing = (PUBLIC / "icon.svg").read_text(encoding="utf-8").replace('rx="6"', 'rx="0"')
    with sync_playwright() as play:
        browser = play.chromium.launch(executable_path=shutil.which("chromium-headless-shell"), args=ARGS)
        for name, size in SIZES.items():
            page = browser.new_page(viewport={"width": size, "height": size})
            page.set_content(f"<style>body{{margin:0}}svg{{display:block;width:{size}px}}</style>{drawing}")
            page.screenshot(path=PUBLIC / name)
        browser.close()


if __name__ == "__main__":
    main()
