import { client, data, Problem } from '$lib/api/client';
import type { Session } from '$lib/api/types';

/** Who is signed in. */
export class SessionState {
	current = $state.raw<Session | null>(null);

	/** Takes up the session that this browser has, if it has one. */
	async open(): Promise<void> {
		try {
			this.current = await data(client.GET('/api/session'));
		} catch (error) {
			if (!(error instanceof Problem) || error.code !== 'not_signed_in') throw error;
			this.current = null;
		}
	}

	async signIn(email: string, password: string): Promise<void> {
		this.current = await data(client.POST('/api/session', { body: { email, password } }));
	}

	async signOut(): Promise<void> {
		await data(client.DELETE('/api/session'));
		this.end();
	}

	/** The studio says that nobody is signed in any more. */
	end(): void {
		this.current = null;
	}
}
