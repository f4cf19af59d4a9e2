import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { answer, api } from "../../api/client";
import type { NewCodesDto } from "../../api/schema";
import { Button } from "../../ui/Button";
import { Refused } from "../../ui/Refused";
import { TextField } from "../../ui/TextField";
import { useAct } from "../useAct";

/** One-time codes: a telephone shows one, the door asks for it beside the password. */
export function Codes() {
	const codes = useQuery({
		queryKey: ["codes"],
		queryFn: () => answer(api.GET("/api/codes")),
	});
	const [recovery, setRecovery] = useState<string[]>();
	return (
		<div className="pt-5">
			<h4 className="pb-1 font-[650]">One-time codes</h4>
			{recovery && (
				<div className="mb-3 bg-plaster p-3" role="status">
					<p>
						One-time codes are on. Keep these recovery codes where your
						telephone is not: each opens once, and they are not shown again.
					</p>
					<ul className="grid max-w-md grid-cols-2 gap-x-6 pt-2 font-[650] tabular-nums">
						{recovery.map((code) => (
							<li key={code}>{code}</li>
						))}
					</ul>
				</div>
			)}
			{codes.data?.on === true && <TurnOff left={codes.data.recoveryLeft} />}
			{codes.data?.on === false && <TurnOn onRecovery={setRecovery} />}
		</div>
	);
}

function TurnOn({ onRecovery }: { onRecovery: (codes: string[]) => void }) {
	const act = useAct();
	const [made, setMade] = useState<NewCodesDto>();
	const [code, setCode] = useState("");
	if (!made)
		return (
			<>
				<p className="text-soft">
					Off: the password alone opens. With them, a code from your telephone
					is asked for at every sign-in.
				</p>
				<Button
					className="mt-2"
					onClick={() =>
						act.run(async () =>
							setMade(await answer(api.POST("/api/codes/new"))),
						)
					}
				>
					Begin with codes
				</Button>
				<Refused of={act.refusal} />
			</>
		);
	return (
		<div className="flex flex-wrap gap-6">
			<img
				src={made.picture}
				alt="QR code of the secret"
				className="size-44 bg-white p-2"
			/>
			<div className="min-w-64 flex-1">
				<p>
					Read the picture with a program for one-time codes (TOTP), or type the
					secret into it:
				</p>
				<p className="py-1 font-[650] break-all">{made.secret}</p>
				<TextField
					label="The code it shows now"
					inputMode="numeric"
					autoComplete="one-time-code"
					value={code}
					wrong={act.refusal?.of("code") ?? act.refusal?.of("secret")}
					onChange={(e) => setCode(e.target.value)}
				/>
				<Refused of={act.refusal} />
				<Button
					kind="go"
					className="mt-3"
					disabled={act.busy || code.trim().length < 6}
					onClick={() =>
						act.run(async () =>
							onRecovery(
								(
									await answer(
										api.POST("/api/codes/on", {
											body: {
												secret: made.secret,
												code,
											},
										}),
									)
								).recovery,
							),
						)
					}
				>
					Turn codes on
				</Button>
			</div>
		</div>
	);
}

function TurnOff({ left }: { left: number }) {
	const act = useAct();
	const [password, setPassword] = useState("");
	return (
		<>
			<p className="pb-2">
				On. {left} recovery code{left === 1 ? " is" : "s are"} left.
			</p>
			<div className="flex flex-wrap items-end gap-2">
				<TextField
					label="Your password, to turn them off"
					type="password"
					autoComplete="current-password"
					value={password}
					wrong={act.refusal?.of("password")}
					onChange={(e) => setPassword(e.target.value)}
				/>
				<Button
					disabled={act.busy || !password}
					onClick={() =>
						act.run(() =>
							answer(api.POST("/api/codes/off", { body: { password } })),
						)
					}
				>
					Turn codes off
				</Button>
			</div>
			<Refused of={act.refusal} />
		</>
	);
}
