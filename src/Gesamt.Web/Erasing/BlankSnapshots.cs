using System.Collections.Immutable;
using System.Text.Json;
using System.Text.Json.Serialization.Metadata;
using Gesamt.Core.Invoicing;
using Gesamt.Core.Papers;
using Gesamt.Core.Work;
using Gesamt.Store.Json;
using Gesamt.Store.Model;
using Gesamt.Web.Briefs;
using Gesamt.Web.Papers;
using Gesamt.Web.Testimonials;
using Gesamt.Web.Work;

namespace Gesamt.Web.Erasing;

/// <summary>Frozen papers without their words: what was chosen, how much and when can still be computed, and nothing says for whom.</summary>
public static class BlankSnapshots
{
    // texts that are no words: by them the parts of a paper find each other
    private static readonly HashSet<string> NoWords =
    [
        "key",
        "group",
        "chosen",
        "hash",
        "picture",
        "proposalHash",
        "brand",
        "logo",
        "country",
        "quantity",
        "unitPrice",
        "rate",
        "number",
    ];

    private static readonly JsonSerializerOptions Blanking = new(StoreJson.Options)
    {
        TypeInfoResolver = new DefaultJsonTypeInfoResolver { Modifiers = { Blank } },
    };

    /// <summary>A version with the hash of what is left of it: it was never signed, or is not kept any longer.</summary>
    public static void Blank(VersionRow version)
    {
        version.Canonical = version.Sort switch
        {
            PaperSort.Proposal => Blanked<ProposalSnapshot>(version.Canonical),
            PaperSort.Contract => Blanked<ContractSnapshot>(version.Canonical),
            PaperSort.Brief => Blanked<List<ShownPartDto>>(version.Canonical),
            PaperSort.Testimonial => Blanked<QuotableDto>(version.Canonical),
            PaperSort.Leave => Blanked<LeaveWording>(version.Canonical),
            PaperSort.RunSheet => Blanked<RunSheet>(version.Canonical),
            PaperSort.Handover => Blanked<HandoverWordsDto>(version.Canonical),
            PaperSort.Board => Blanked<AgreedBoard>(version.Canonical),
            _ => throw new ArgumentOutOfRangeException(nameof(version), version.Sort, "An unknown sort of paper."),
        };
        version.Hash = CanonicalJson.Hash(version.Canonical);
    }

    public static void Blank(InvoiceRow invoice) => invoice.Snapshot = Blanked<InvoiceSnapshot>(invoice.Snapshot);

    public static void Blank(RecurringRow recurring) => recurring.Bill = Blanked<Bill>(recurring.Bill);

    private static byte[] Blanked<T>(byte[] canonical)
        where T : class => CanonicalJson.Of(JsonSerializer.SerializeToNode(Read<T>(canonical), Blanking));

    private static string Blanked<T>(string json)
        where T : class => JsonSerializer.Serialize(StoreJson.Read<T>(json), Blanking);

    private static T Read<T>(byte[] canonical) =>
        JsonSerializer.Deserialize<T>(canonical, StoreJson.Options) ?? throw new JsonException("A version is empty.");

    private static void Blank(JsonTypeInfo info)
    {
        foreach (var property in info.Properties.Where(property => !NoWords.Contains(property.Name)))
            if (property.Get is { } get)
                property.Get = property.PropertyType switch
                {
                    var type when type == typeof(string) => row => get(row) is null ? null : "",
                    var type when type == typeof(ImmutableArray<string>) => _ => ImmutableArray<string>.Empty,
                    _ => get,
                };
    }
}
