/** A small picture of a picture; for anything else its ending. */
export function Thumb({ address, name }: { address?: string; name: string }) {
	return address ? (
		<img
			src={address}
			alt=""
			loading="lazy"
			className="h-12 w-16 shrink-0 border border-hair object-cover"
		/>
	) : (
		<span className="grid h-12 w-16 shrink-0 place-items-center border border-hair font-head text-small text-soft">
			{name.split(".").at(-1)?.slice(0, 5)}
		</span>
	);
}
