export { GLOSSARY, type Word } from './glossary.ts';
export { Help } from './help.tsx';
