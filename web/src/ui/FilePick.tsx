import type { ReactNode } from "react";

const looks = { plain: "btn", go: "btn btn-go", word: "link" };

/** Picks files from the device. `name` is what a screen reader calls it, where the words alone say too little. */
export function FilePick({
	children,
	name,
	kind = "plain",
	accept,
	multiple,
	folder,
	disabled,
	className = "",
	onFiles,
}: {
	children: ReactNode;
	name?: string;
	kind?: keyof typeof looks;
	accept?: string;
	multiple?: boolean;
	/** A folder with all that lies in it; a device that has none offers files. */
	folder?: boolean;
	disabled?: boolean;
	className?: string;
	onFiles: (files: File[]) => void;
}) {
	return (
		<label
			className={`${looks[kind]} relative cursor-pointer has-focus-visible:outline-2 ${className}`}
		>
			{children}
			<input
				type="file"
				className="sr-only"
				aria-label={name}
				accept={accept}
				multiple={multiple}
				{...(folder && { webkitdirectory: "" })}
				disabled={disabled}
				onChange={(e) => {
					const files = [...(e.target.files ?? [])];
					// the same file may be picked once more
					e.target.value = "";
					if (files.length > 0) onFiles(files);
				}}
			/>
		</label>
	);
}
