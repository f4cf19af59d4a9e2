import { useQueryClient } from "@tanstack/react-query";
import { type FormEvent, useState } from "react";
import { TextField } from "../ui/Fields";
import { post } from "../ui/http";

export function SignIn({ studio }: { studio: string }) {
	const queries = useQueryClient();
	const [password, setPassword] = useState("");
	const [wrong, setWrong] = useState<string>();
	async function signIn(event: FormEvent) {
		event.preventDefault();
		try {
			await post("/api/session", { password });
			await queries.invalidateQueries({ queryKey: ["session"] });
		} catch (error) {
			setWrong((error as Error).message);
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
					wrong={wrong}
					onChange={(e) => setPassword(e.target.value)}
				/>
				<button type="submit" className="btn btn-go mt-4 w-full">
					Sign in
				</button>
			</form>
		</main>
	);
}
