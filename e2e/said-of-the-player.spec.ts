import { addMove, expect, keepAs, test, typeSticking } from './fixture';

const SINGLES = '(R L R L R L R K)x2';

test('what a program plays is nobody’s: shelf, Today and Log say so after it was clean at the goal', async ({
  page,
}) => {
  await typeSticking(page, SINGLES);
  await keepAs(page, 'Practice', '130');
  await page.getByRole('button', { name: 'Drill it' }).click();
  await page.getByRole('button', { name: 'Whole phrase only' }).click();
  for (const [label, value] of [
    ['Start tempo', 130],
    ['Goal tempo', 130],
    ['Loops a rung', 1],
  ] as const) {
    await page.getByLabel(label).fill(String(value));
    await page.getByLabel(label).press('Enter');
  }
  await page.getByRole('button', { name: 'Simulated player' }).click();
  await page.locator('h1').click();
  await page.keyboard.press('Space');
  await expect(page.locator('header')).toContainText(/Goal 130 was clean/, { timeout: 40_000 });
  await page.goto('/shelf');
  const strip = page.locator('ls-strip', { hasText: 'Practice' });
  await expect(strip).toBeVisible();
  await expect(strip).not.toContainText(/clean|ready \d/);
  await page.goto('/log');
  await expect(page.locator('#chart-title')).toHaveText(/^Nothing of your own yet: the one try was simulated/);
  await expect(page.locator('ls-tries-table')).toContainText('simulated');
  await page.getByRole('button', { name: 'What did I practise?' }).click();
  await expect(page.locator('#chart-title')).toHaveText('Nothing practised yet.');
  await page.goto('/today');
  await expect(page.getByText(/New\. Start at \d+/)).toBeVisible();
});

test('kept, undone once and drilled it is still one phrase, under its own name; undo says what it leaves alone', async ({
  page,
}) => {
  await typeSticking(page, 'R L R R L R L L');
  await addMove(page, 'Swap the hands');
  await expect(page.getByRole('article', { name: /Swap the hands/ })).toHaveCount(1);
  await keepAs(page, 'Cold rope', '120');
  await page.locator('h1').click();
  await page.keyboard.press('Control+z');
  await expect(page.getByText('Undone here. “Cold rope” stays on the shelf as you kept it.')).toBeVisible();
  await expect(page.getByRole('article', { name: /Swap the hands/ })).toHaveCount(0);
  await page.getByRole('button', { name: 'Drill it' }).click();
  await expect(page.locator('h1')).toHaveText('Cold rope');
  await page.goto('/shelf');
  await expect(page.locator('ls-strip')).toHaveCount(1);
  await expect(page.locator('ls-strip')).toContainText('Cold rope');
});

test('a goal above the ceiling: none is proposed, one that is set is said, with what helps and where to end', async ({
  page,
}) => {
  await typeSticking(page, '(R R L L)x4');
  await page.keyboard.press('/');
  await page.keyboard.type('at 300');
  await page.keyboard.press('Enter');
  await page.getByRole('button', { name: 'Keep it' }).click();
  const dialog = page.getByRole('dialog');
  const goal = dialog.getByLabel('Goal tempo');
  const proposed = Number(await goal.inputValue());
  expect(proposed).toBeLessThan(300);
  await goal.fill('380');
  await goal.press('Tab');
  await expect(dialog.getByText(`That is above your ceiling of ${proposed}.`)).toBeVisible();
  await dialog.getByRole('button', { name: 'Keep it' }).click();
  await page.getByRole('button', { name: 'Drill it' }).click();
  const above = page.locator('ls-ladder-setup .above');
  await expect(above).toContainText(
    new RegExp(`^ ?The goal of 380 and \\d+ rungs? before it are above your ceiling of ${proposed}\\.`),
  );
  await above.getByRole('button', { name: `End at ${proposed}` }).click();
  await expect(page.getByLabel('Goal tempo')).toHaveValue(String(proposed));
  await expect(above).toHaveCount(0);
});
