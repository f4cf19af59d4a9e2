import type { SaveStudioDto, StudioChoicesDto } from "../../api/schema";

/** A page and a paper as clients would see them now, before anything is kept. */
export function Sample({
	said,
	hasLogo,
	choices,
}: {
	said: SaveStudioDto;
	hasLogo: boolean;
	choices: StudioChoicesDto;
}) {
	const amount = choices.numbers.find(
		(one) => one.value === said.style.numbers,
	)?.looks;
	const day = choices.days
		.find((one) => one.value === said.style.days)
		?.looks.split(", ")[0];
	const brand = /^#[0-9a-f]{6}$/i.test(said.look.brand)
		? said.look.brand
		: "#17211d";
	return (
		<div
			role="img"
			aria-label="A sample of a client’s page and of an invoice"
			className="client grid gap-4 sm:grid-cols-2"
		>
			<div className="border border-hair bg-plaster">
				<div
					className="flex items-center gap-2 px-3 py-2.5 text-white"
					style={{ background: brand }}
				>
					<b className="font-head text-[13px]">{said.names.name}</b>
				</div>
				<div className="grid gap-2 p-3 text-[12.5px]">
					<b className="font-head text-[14px]">Your proposal</b>
					<span className="text-soft">Until {day}</span>
					<span className="flex justify-between border-t border-hair pt-2">
						<span>Together</span>
						<b className="num">{amount}</b>
					</span>
					<span
						className="rounded-xs px-3 py-2 text-center font-head font-[600] text-white"
						style={{ background: brand }}
					>
						Accept and sign
					</span>
				</div>
			</div>
			<div className="grid content-start gap-2 border border-hair bg-white p-4 text-[11.5px] leading-snug">
				<div className="flex justify-between gap-3">
					{hasLogo ? (
						<img src="/logo" alt="" className="max-h-9 max-w-28" />
					) : (
						<b className="font-head text-[13px]" style={{ color: brand }}>
							{said.names.name}
						</b>
					)}
					<span className="text-right whitespace-pre-line text-soft">
						{[
							said.names.address,
							said.names.phone,
							said.names.mail,
							said.names.site,
						]
							.filter(Boolean)
							.join("\n")}
					</span>
				</div>
				<b className="font-head text-[15px]" style={{ color: brand }}>
					Invoice
				</b>
				<span className="flex justify-between border-t border-ink pt-1.5">
					<span>To pay</span>
					<b className="num">{amount}</b>
				</span>
				<span className="border-t border-hair pt-1.5 text-soft">
					{[said.money.bank, said.money.iban, said.money.bic]
						.filter(Boolean)
						.join(", ") || "Your bank would stand here."}
				</span>
			</div>
		</div>
	);
}
