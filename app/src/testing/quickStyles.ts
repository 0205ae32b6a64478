/**
 * Makes `getComputedStyle` of the test page quick.
 *
 * The test page matches every style rule with an element and then, for the one inherited property it knows
 * (visibility), again with each of its ancestors: 15 ms a question, and a query by role or a click asks
 * hundreds. Two thirds of the time of a screen's tests went there.
 *
 * Every rule of ours is one class, or all children of one class, so that the style of an element follows from
 * its own tag and attributes and those of its parent. It is computed once for each such pair, and again after
 * rules were added. Where an ancestor is hidden by `visibility`, the page's own answer is given.
 */
function rememberStyles(page: Window): void {
  const compute = page.getComputedStyle.bind(page);
  const sheets = page.document.styleSheets;
  let known = new Map<string, CSSStyleDeclaration>();
  let rules = 0;

  const styleIn = (element: Element): CSSStyleDeclaration => {
    const alone = element.cloneNode(false) as Element;
    const parent = element.parentElement?.cloneNode(false) as Element | undefined;
    parent?.append(alone);
    const tags = (parent ?? alone).outerHTML;
    const style = known.get(tags) ?? compute(alone);
    known.set(tags, style);
    return style;
  };

  page.getComputedStyle = (element, pseudo) => {
    if (pseudo) return compute(element, pseudo);
    const counted = Array.from(sheets).reduce((sum, sheet) => sum + sheet.cssRules.length, 0);
    if (counted !== rules) known = new Map();
    rules = counted;
    for (let above = element.parentElement; above; above = above.parentElement)
      if (styleIn(above).visibility !== 'visible') return compute(element);
    return styleIn(element);
  };
}

// Some files are tested without a page.
if (typeof window !== 'undefined') rememberStyles(window);
