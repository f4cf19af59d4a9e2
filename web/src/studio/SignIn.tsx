import { useQueryClient } from "@tanstack/react-query";
import { type FormEvent, useState } from "react";
import { answer, api } from "../api/client";
import type { Refusal } from "../api/refusal";
import { Button } from "../ui/Button";
import { TextField } from "../ui/TextField";

export function SignIn({ studio }: { studio: string }) {
	const queries = useQueryClient();
	const [password, setPassword] = useState("");
	const [code, setCode] = useState<string>();
	const [wrong, setWrong] = useState<string>();
	async function signIn(event: FormEvent) {
		event.preventDefault();
		try {
			await answer(
				api.POST("/api/session", { body: { password, code: code || null } }),
			);
			await queries.invalidateQueries({ queryKey: ["session"] });
		} catch (error) {
			const refusal = error as Refusal;
			if (refusal.needsCode && code === undefined) {
				setCode("");
				setWrong(undefined);
			} else setWrong(refusal.message);
		}
	}
	return (
		<main className="grid min-h-screen place-items-center p-5">
			<form onSubmit={signIn} className="panel w-full max-w-sm p-6">
				<h1 className="mb-1">Gesamt</h1>
				<p className="pb-5 text-soft">{studio}</p>
				<TextField
					label="Your password"
					type="password"
					autoComplete="current-password"
					autoFocus
					value={password}
					wrong={code === undefined ? wrong : undefined}
					onChange={(e) => {
						setPassword(e.target.value);
						setCode(undefined);
					}}
				/>
				{code !== undefined && (
					<div className="pt-4">
						<TextField
							label="Code from your telephone, or a recovery code"
							inputMode="text"
							autoComplete="one-time-code"
							autoFocus
							value={code}
							wrong={wrong}
							onChange={(e) => setCode(e.target.value)}
						/>
					</div>
				)}
				<Button kind="go" className="mt-4 w-full" type="submit">
					Sign in
				</Button>
			</form>
		</main>
	);
}
