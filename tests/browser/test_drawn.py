"""How much of a page is drawn anew by a keystroke: React tells its developers' hook of every commit, in the built page too."""

from tests.browser.base import DESKTOP, BrowserCase, expect

# A component was drawn where its fiber says so ("performed work"); of what was left as it was, React keeps the very children.
HOOK = """
window.commits = [];
const own = (fiber) => [0, 11, 15].includes(fiber.tag);
const drawn = (fiber, before) => {
  let count = own(fiber) && fiber.flags & 1 ? 1 : 0;
  if (fiber.child === before.child) return count;
  for (let one = fiber.child; one; one = one.sibling) if (one.alternate) count += drawn(one, one.alternate);
  return count;
};
const all = (fiber) => {
  let count = own(fiber) ? 1 : 0;
  for (let one = fiber.child; one; one = one.sibling) count += all(one);
  return count;
};
window.__REACT_DEVTOOLS_GLOBAL_HOOK__ = {
  supportsFiber: true, renderers: new Map(), inject: () => 1, onCommitFiberUnmount() {}, onPostCommitFiberRoot() {},
  onCommitFiberRoot(_, { current }) {
    if (current.alternate) window.commits.push([drawn(current, current.alternate), all(current)]);
  },
};
"""


class Drawn(BrowserCase):
    def typed(self, page, label, text):
        """Return the components drawn by one keystroke in a box, and those there are."""
        box = page.get_by_label(label, exact=True).first
        box.focus()
        # The key, and what React commits for it before anything else has its turn.
        return box.evaluate(
            """(box, text) => {
              window.commits = [];
              const set = Object.getOwnPropertyDescriptor(HTMLInputElement.prototype, "value").set;
              set.call(box, box.value + text);
              box.dispatchEvent(new Event("input", { bubbles: true }));
              const commits = window.commits;
              return [commits.reduce((sum, [drawn]) => sum + drawn, 0), Math.max(...commits.map(([, all]) => all))];
            }""",
            text,
        )

    def test_a_keystroke_draws_a_part_of_the_page(self):
        page = self.prepared(DESKTOP, "/water")
        page.context.add_init_script(HOOK)
        page.reload()
        expect(page.get_by_role("heading", name="What it means")).to_be_visible()
        for label in ("Wind", "Water depth at the place"):
            page.get_by_label(label, exact=True).first.fill("3")  # the first touch makes the draft
            drawn, all_there = self.typed(page, label, ".5")
            self.assertGreater(drawn, 0)
            self.assertLess(drawn, all_there / 5, label)
