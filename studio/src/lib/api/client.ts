import createClient from 'openapi-fetch';
import type { paths } from './schema';

/** What went wrong, in the words of the API (RFC 9457). `code` is stable; `detail` is for people. */
export class Problem extends Error {
	readonly code: string;
	readonly status: number;
	readonly facts: Record<string, unknown>;

	constructor(body: { code?: string; status?: number; detail?: string }) {
		super(body.detail ?? 'Something went wrong.');
		this.code = body.code ?? 'unknown';
		this.status = body.status ?? 0;
		this.facts = body;
	}
}

export const client = createClient<paths>({ baseUrl: '/' });

/** Returns the data of an answer, or throws what the API said was wrong. */
export async function data<T>(answer: Promise<{ data?: T; error?: unknown }>): Promise<T> {
	let got: { data?: T; error?: unknown };
	try {
		got = await answer;
	} catch {
		throw new Problem({ code: 'offline', detail: 'The studio does not answer. Is ./start still running?' });
	}
	if (got.error !== undefined) {
		const error = got.error && typeof got.error === 'object' ? got.error : { detail: String(got.error) };
		throw new Problem(error);
	}
	return got.data as T;
}
