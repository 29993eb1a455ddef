import { countSheets, sayHeight, sayMoney, sayTime } from './amounts';

test.each([
  [countSheets(1), '1 sheet'],
  [countSheets(240), '240 sheets'],
  [sayMoney(2.1), '€ 2.10'],
  [sayMoney(1316.4), '€ 1,316.40'],
  [sayTime(0.2), '1 s'],
  [sayTime(72), '72 s'],
  [sayTime(480), '8 min'],
  [sayTime(4200), '1 h 10 min'],
  [sayHeight(0.94), '0.9 mm'],
  [sayHeight(26.2), '26 mm'],
])('%s', (said, expected) => {
  expect(said).toBe(expected);
});
