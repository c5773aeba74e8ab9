import type { ChildProcess } from 'node:child_process';
export function startServer(): Promise<{ url: string; server: ChildProcess }>;
export default function setup(): Promise<void>;
