import { readFileSync } from 'node:fs';
import { expect, it } from 'vitest';
import { GLOSSARY } from './glossary.ts';

it('has one text for each word, and the docs have the same', () => {
  const texts = Object.values(GLOSSARY);
  expect(new Set(texts).size).toBe(texts.length);
  const docs = readFileSync(new URL('../../../../../docs/words.md', import.meta.url), 'utf8');
  for (const [word, text] of Object.entries(GLOSSARY)) expect(docs).toContain(`**${word}** ${text}`);
  expect(docs.match(/^\*\*/gm)).toHaveLength(texts.length);
});
