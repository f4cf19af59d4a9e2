namespace Gesamt.Store.Model;

/// <summary>How long what is personal stays once somebody is erased.</summary>
public enum Kept
{
    /// <summary>It goes at once.</summary>
    Not,

    /// <summary>As long as the law keeps what was agreed: accepted proposals and signed contracts.</summary>
    AsAgreement,

    /// <summary>As long as the law keeps the books: invoices, payments, receipts.</summary>
    AsBooks,
}

/// <summary>A column that can hold what a client is called, said or was told: it is blanked when they are erased. On a table: its rows go.</summary>
/// <param name="blank">What stands there afterwards; null for nothing, which is an empty text where the column must hold one.</param>
[AttributeUsage(AttributeTargets.Property | AttributeTargets.Class)]
public sealed class PersonalAttribute(object? blank = null) : Attribute
{
    /// <summary>What stands where a row must be called something.</summary>
    public const string Erased = "Erased";

    /// <summary>An address that nobody has (RFC 2606, 2).</summary>
    public const string Nowhere = "erased@erased.invalid";

    /// <inheritdoc cref="PersonalAttribute"/>
    public object? Blank { get; } = blank;

    /// <summary>How long it stays.</summary>
    public Kept Kept { get; init; }
}

/// <summary>A column whose text is a JSON value (RFC 8259): in an archive it stands as that value and not as a text.</summary>
[AttributeUsage(AttributeTargets.Property)]
public sealed class HoldsJsonAttribute : Attribute;

/// <summary>A column or a table that is computed from the others: an archive goes without, and who reads one computes it anew.</summary>
[AttributeUsage(AttributeTargets.Property | AttributeTargets.Class)]
public sealed class DerivedAttribute : Attribute;

/// <summary>A column or a table of this house alone, which no archive takes along: what opens it, such as passwords and keys, and what passes by itself.</summary>
[AttributeUsage(AttributeTargets.Property | AttributeTargets.Class)]
public sealed class StaysHereAttribute : Attribute;

/// <summary>A column that names a kept file by its SHA-256.</summary>
/// <param name="named">The column with the file's own name; null where it has none.</param>
[AttributeUsage(AttributeTargets.Property)]
public sealed class NamesFileAttribute(string? named = null) : Attribute
{
    /// <inheritdoc cref="NamesFileAttribute"/>
    public string? Named { get; } = named;
}
