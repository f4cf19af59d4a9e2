import { sha256 } from "@noble/hashes/sha2.js";
import { bytesToHex } from "@noble/hashes/utils.js";
import { useEffect, useState } from "react";
import { answer, api } from "../api/client";
import type { Refusal } from "../api/refusal";
import type { CheckedDto } from "../api/schema";
import { Alert } from "../ui/Alert";
import { FilePick } from "../ui/FilePick";

/** Whether a file is, byte for byte, a paper of this studio. The file stays in the browser: only its SHA-256 is asked after. */
export default function CheckPage() {
	const [name, setName] = useState("");
	const [hash, setHash] = useState("");
	const [found, setFound] = useState<CheckedDto>();
	const [wrong, setWrong] = useState<string>();
	const [over, setOver] = useState(false);
	useEffect(() => {
		document.title = "Is this paper the sealed one?";
	}, []);

	async function check(file: File | undefined) {
		if (!file) return;
		setName(file.name);
		setFound(undefined);
		setWrong(undefined);
		try {
			const counted = await hashOf(file);
			setHash(counted);
			setFound(
				await answer(
					api.GET("/check/api/{hash}", { params: { path: { hash: counted } } }),
				),
			);
		} catch (refused) {
			setWrong((refused as Refusal).message);
		}
	}

	return (
		<main className="client mx-auto min-h-screen max-w-2xl bg-sheet p-6 text-[16px]">
			<h1 className="mb-3">Is this paper the sealed one?</h1>
			<p className="pb-5">
				Drop a contract or an invoice here to learn whether it is, byte for
				byte, what was signed or issued. The file does not leave your device:
				only a number that is counted from it, its SHA-256, is compared.
			</p>
			{/* biome-ignore lint/a11y/noStaticElementInteractions: a place to drop into; the button in it does the same by keys */}
			<div
				className={`grid place-items-center gap-3 border-[1.5px] border-dashed p-10 text-center ${over ? "border-ink bg-plaster" : "border-soft"}`}
				onDragOver={(event) => {
					event.preventDefault();
					setOver(true);
				}}
				onDragLeave={() => setOver(false)}
				onDrop={(event) => {
					event.preventDefault();
					setOver(false);
					check(event.dataTransfer.files[0]);
				}}
			>
				<FilePick name="Choose a file" onFiles={([file]) => check(file)}>
					Choose a file
				</FilePick>
				<span className="text-soft">or drop it here</span>
			</div>
			<div role="status" className="pt-5">
				{found && (
					<p
						className={`border-[1.5px] border-ink p-4 ${found.known ? "bg-plaster" : ""}`}
					>
						<b className="font-[650]">
							{found.known ? "Yes. " : "No. "}
							{name}:
						</b>{" "}
						{found.words}
					</p>
				)}
				{hash && (
					<p className="pt-3 text-[13px] break-all text-soft">SHA-256 {hash}</p>
				)}
			</div>
			{wrong && <Alert>{wrong}</Alert>}
		</main>
	);
}

/** Counted piece by piece, so that a large file is never held whole; also where the page is not on a secure address. */
async function hashOf(file: File): Promise<string> {
	const sum = sha256.create();
	const reader = file.stream().getReader();
	for (;;) {
		const { done, value } = await reader.read();
		if (done) return bytesToHex(sum.digest());
		sum.update(value);
	}
}
