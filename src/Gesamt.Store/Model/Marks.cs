namespace Gesamt.Store.Model;

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
