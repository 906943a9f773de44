export { BenchPage } from './bench-page.tsx';
