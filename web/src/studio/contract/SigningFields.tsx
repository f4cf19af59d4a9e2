import type { ContractFileDto, SignerDto, SigningDto } from "../../api/schema";
import { Button } from "../../ui/Button";
import { FilePick } from "../../ui/FilePick";
import { Menu } from "../../ui/Menu";
import { moved, Sortable, SortableItem } from "../../ui/Sortable";
import { Tick } from "../../ui/Tick";
import { paperFileAt, usePaperFile } from "../proposal/usePaperFile";

/** How a contract is signed: by whom in which order, with a code or without. */
export function SigningFields({
	signing,
	who,
	wrong,
	onChange,
}: {
	signing: SigningDto;
	/** Who can sign for the client. */
	who: readonly SignerDto[];
	wrong?: string;
	onChange: (signing: SigningDto) => void;
}) {
	const { signers } = signing;
	const set = (part: Partial<SigningDto>) => onChange({ ...signing, ...part });
	const others = who.filter((one) =>
		signers.every((signer) => signer.person !== one.person),
	);
	return (
		<section aria-label="Signatures" className="grid gap-2">
			<h3>Who signs for the client</h3>
			{signers.length === 0 ? (
				<p className="text-soft">
					Whoever decides signs alone. For several signatures, one after the
					other, say who signs first.
				</p>
			) : (
				<Sortable
					label="Who signs, in this order"
					keys={signers.map((one) => String(one.person))}
					onMove={(from, to) => set({ signers: moved(signers, from, to) })}
				>
					{signers.map((one, at) => (
						<SortableItem
							key={one.person}
							id={String(one.person)}
							name={one.name}
							className="flex items-baseline gap-3 border-b border-hair bg-sheet py-1"
						>
							{(handle) => (
								<>
									<span className="num text-soft">{at + 1}</span>
									<span>{one.name}</span>
									<span className="ml-auto flex items-baseline gap-2">
										{signers.length > 1 && handle}
										<Button
											kind="word"
											size="small"
											onClick={() =>
												set({
													signers: signers.filter(
														(other) => other.person !== one.person,
													),
												})
											}
										>
											leave out<span className="sr-only"> {one.name}</span>
										</Button>
									</span>
								</>
							)}
						</SortableItem>
					))}
				</Sortable>
			)}
			{others.length > 0 && (
				<div>
					<Menu
						words={
							signers.length === 0 ? "Say who signs" : "Somebody else signs too"
						}
						items={others.map((one) => ({
							words: one.name,
							act: () => set({ signers: [...signers, one] }),
						}))}
					/>
				</div>
			)}
			{others.length === 0 && signers.length === who.length && (
				<p className="under">
					Whoever else is to sign needs a part that decides, under People on the
					record.
				</p>
			)}
			{wrong && <p className="wrong">{wrong}</p>}
			<Tick
				label="A code goes to each one’s mail address, and is typed with the signature"
				under="for more certainty about who it is"
				checked={signing.asksCode}
				onChange={(asksCode) => set({ asksCode })}
			/>
		</section>
	);
}

/** The owner's own file in place of a text. */
export function OwnFile({
	file,
	wrong,
	onChange,
}: {
	file?: ContractFileDto | null;
	wrong?: string;
	onChange: (file: ContractFileDto | null) => void;
}) {
	const pick = usePaperFile((kept) =>
		onChange({ hash: kept.hash, name: kept.name }),
	);
	return (
		<div>
			{file ? (
				<p className="flex flex-wrap items-baseline gap-3">
					<Button asChild kind="word">
						<a href={paperFileAt(file.hash)}>{file.name}</a>
					</Button>
					<span className="under">is the contract, in place of a text</span>
					<Button kind="word" size="small" onClick={() => onChange(null)}>
						leave it out
					</Button>
				</p>
			) : (
				<FilePick
					accept="application/pdf"
					name="Choose a PDF of your own as the contract"
					onFiles={pick}
				>
					Take a PDF of your own instead
				</FilePick>
			)}
			{wrong && <p className="wrong">{wrong}</p>}
		</div>
	);
}
