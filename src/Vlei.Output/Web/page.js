// Everything can be read without this; it folds groups, finds rows, and sorts lists.
for (const table of document.querySelectorAll("table.report")) {
  const rows = [...table.tBodies[0].rows];
  const level = row => +row.dataset.level;
  const state = new Map(rows.map(row => [row, { folds: 0, out: false }]));
  const draw = row => { const s = state.get(row); row.hidden = s.folds > 0 || s.out; };
  const inside = at => {
    let end = at + 1;
    while (end < rows.length && level(rows[end]) > level(rows[at])) end++;
    return rows.slice(at + 1, end);
  };
  const folds = [];
  rows.forEach((row, at) => {
    const within = inside(at);
    if (row.classList.contains("total") || row.classList.contains("grand") || within.length === 0) return;
    const button = document.createElement("button");
    button.type = "button";
    button.className = "fold";
    const set = open => {
      if ((button.getAttribute("aria-expanded") !== "false") !== open) {
        for (const other of within) { state.get(other).folds += open ? -1 : 1; draw(other); }
      }
      button.setAttribute("aria-expanded", open);
      button.textContent = open ? "▾" : "▸";
    };
    button.setAttribute("aria-label", table.dataset.fold + " " + row.cells[0].textContent);
    button.addEventListener("click", () => set(button.getAttribute("aria-expanded") === "false"));
    set(true);
    row.cells[0].prepend(button);
    folds.push(set);
  });

  const tools = document.createElement("div");
  tools.className = "tools";
  const add = (element, how) => { Object.assign(element, how); tools.append(element); return element; };
  if (rows.length > 8) {
    const find = add(document.createElement("input"), { type: "search", placeholder: table.dataset.find });
    find.setAttribute("aria-label", table.dataset.find);
    find.addEventListener("input", () => {
      const wanted = find.value.trim().toLowerCase();
      for (const row of rows) {
        state.get(row).out = wanted !== "" && !row.textContent.toLowerCase().includes(wanted);
        draw(row);
      }
    });
  }
  if (folds.length > 1) {
    add(document.createElement("button"), { type: "button", textContent: table.dataset.foldAll, onclick: () => folds.forEach(set => set(false)) });
    add(document.createElement("button"), { type: "button", textContent: table.dataset.openAll, onclick: () => folds.forEach(set => set(true)) });
  }
  if (tools.childElementCount > 0) table.parentElement.before(tools);

  // A list is sorted by its columns; the order of a statement says something.
  const records = rows.filter(row => row.classList.contains("record"));
  const rest = rows.filter(row => !row.classList.contains("record"));
  if (records.length > 1 && rest.every(row => row.classList.contains("grand"))) {
    const heads = [...table.tHead.rows[0].cells];
    heads.forEach((head, column) => {
      if (head.textContent === "") return;
      const button = document.createElement("button");
      button.type = "button";
      button.className = "sort";
      button.append(...head.childNodes);
      head.append(button);
      const value = row => {
        const cell = row.cells[column], exact = cell.querySelector("data");
        const number = exact && +exact.value;
        return exact ? isNaN(number) ? exact.value : number : cell.textContent.trim();
      };
      button.addEventListener("click", () => {
        const down = head.getAttribute("aria-sort") === "ascending";
        heads.forEach(other => other.removeAttribute("aria-sort"));
        head.setAttribute("aria-sort", down ? "descending" : "ascending");
        const order = (a, b) => {
          const [x, y] = [value(a), value(b)];
          return x === y ? 0 : x === "" ? 1 : y === "" ? -1
            : (down ? -1 : 1) * (typeof x === "number" && typeof y === "number" ? x - y : String(x).localeCompare(String(y), document.documentElement.lang, { numeric: true }));
        };
        table.tBodies[0].append(...[...records].sort(order), ...rest);
      });
    });
  }
}
