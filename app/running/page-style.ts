/** How what stands under the stage of a running page looks: the printed colours, in the reader's own letters. */
export const LOOK = `
:host { display: block; color-scheme: light dark; --ink: #16323a; --notch: #c98f2c; --rule: #b9ad92; }
@media (prefers-color-scheme: dark) { :host { --ink: #ede6d3; --notch: #ddb45c; --rule: #4a6670; } }
canvas { display: block; width: 100%; cursor: pointer; }
canvas:focus-visible { outline: 2px solid var(--notch); outline-offset: -2px; }
.bar { display: flex; flex-wrap: wrap; gap: 12px 20px; align-items: center; padding: 10px 4px; color: var(--ink);
  font: 14px/1.4 system-ui, sans-serif; }
button { font: inherit; color: inherit; background: none; border: 1px solid var(--rule); border-radius: 4px;
  min-width: 64px; min-height: 36px; cursor: pointer; }
label { display: grid; grid-template-columns: 1fr auto; gap: 0 8px; min-width: 140px; flex: 1 1 140px; max-width: 260px; }
input[type=range], select { grid-column: 1 / -1; width: 100%; accent-color: var(--notch); min-height: 24px; }
output { font-variant-numeric: tabular-nums; }
`
