"""How headless Chromium is started, for tests and benchmarks.

The shell is the same engine without the windows of a browser around it, which took half of the tests' time.
"""

PROGRAM = "/usr/bin/chromium-headless-shell"
FLAGS = [
    "--no-sandbox", "--disable-gpu", "--disable-quic", "--no-first-run", "--disable-background-networking",
    "--disable-component-update", "--disable-sync",
    # Letters stand where they do on a screen of fine dots, as on a phone; the shell would set them on whole pixels.
    "--font-render-hinting=none",
]  # fmt: skip
# A headless browser says so in its agent, and the edge takes it for a robot.
AGENT = "Mozilla/5.0 (X11; Linux x86_64) AppleWebKit/537.36 (KHTML, like Gecko) Chrome/156.0.0.0 Safari/537.36"
