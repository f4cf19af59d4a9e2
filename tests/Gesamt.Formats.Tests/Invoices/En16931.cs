using System.Globalization;
using System.Xml.Linq;

namespace Gesamt.Formats.Tests.Invoices;

/// <summary>The business rules of EN 16931-1 (6.4) and their UBL binding as executable checks, by their names; and those of Peppol BIS Billing 3.0 that go beyond. Rules of groups that a studio never writes (payee, tax representative, card, direct debit, charges, attachments) hold by there being none, which is checked.</summary>
internal sealed class En16931
{
    public static readonly XNamespace Cac = "urn:oasis:names:specification:ubl:schema:xsd:CommonAggregateComponents-2",
        Cbc = "urn:oasis:names:specification:ubl:schema:xsd:CommonBasicComponents-2";

    private readonly XElement root;
    private readonly List<string> broken = [];
    private readonly bool credit;

    private En16931(XElement root)
    {
        this.root = root;
        credit = root.Name.LocalName == "CreditNote";
    }

    /// <summary>The names of the rules that a document breaks.</summary>
    public static IReadOnlyList<string> Broken(byte[] document)
    {
        using var stream = new MemoryStream(document);
        var rules = new En16931(XDocument.Load(stream).Root!);
        rules.Document();
        rules.Parties();
        rules.Lines();
        rules.Sums();
        rules.Taxes();
        rules.Decimals();
        rules.Peppol();
        return rules.broken;
    }

    private void Must(string rule, bool holds)
    {
        if (!holds)
            broken.Add(rule);
    }

    private static string? At(XElement? from, string path) =>
        path.Split('/')
            .Aggregate(
                from,
                (element, name) => element?.Elements().FirstOrDefault(child => child.Name.LocalName == name)
            )
            ?.Value;

    private static IEnumerable<XElement> All(XElement from, string name) =>
        from.Elements().Where(child => child.Name.LocalName == name);

    private static XElement? One(XElement? from, string path) =>
        path.Split('/')
            .Aggregate(from, (element, name) => element is null ? null : All(element, name).FirstOrDefault());

    private static decimal Number(string? text) => decimal.Parse(text!, CultureInfo.InvariantCulture);

    private static bool Has(string? text) => !string.IsNullOrWhiteSpace(text);

    private XElement Seller => One(root, "AccountingSupplierParty/Party")!;
    private XElement Buyer => One(root, "AccountingCustomerParty/Party")!;
    private XElement Total => One(root, "LegalMonetaryTotal")!;
    private List<XElement> LinesOf => [.. All(root, credit ? "CreditNoteLine" : "InvoiceLine")];
    private List<XElement> Allowances => [.. All(root, "AllowanceCharge")];
    private List<XElement> Subtotals => [.. All(One(root, "TaxTotal")!, "TaxSubtotal")];

    private void Document()
    {
        Must("BR-1", Has(At(root, "CustomizationID")));
        Must("BR-2", Has(At(root, "ID")));
        Must("BR-3", Has(At(root, "IssueDate")));
        Must("BR-4", At(root, credit ? "CreditNoteTypeCode" : "InvoiceTypeCode") == (credit ? "381" : "380"));
        Must("BR-5", At(root, "DocumentCurrencyCode") is { Length: 3 });
        Must("BR-16", LinesOf.Count > 0);
        Must(
            "BR-CL-04",
            root.Descendants().All(Money => (string?)Money.Attribute("currencyID") is null or { Length: 3 })
        );
        Must("BR-53", One(root, "TaxCurrencyCode") is null);
        Must("BR-29", Order(At(root, "InvoicePeriod/StartDate"), At(root, "InvoicePeriod/EndDate")));
        Must("BR-CO-19", One(root, "InvoicePeriod") is not { } period || period.Elements().Any());
        if (credit)
            Must("BR-55", Has(At(root, "BillingReference/InvoiceDocumentReference/ID")));
        foreach (
            var absent in new[]
            {
                ("BR-17", "PayeeParty"),
                ("BR-18", "TaxRepresentativeParty"),
                ("BR-52", "AdditionalDocumentReference"),
            }
        )
            Must(absent.Item1, One(root, absent.Item2) is null);
        foreach (var means in All(root, "PaymentMeans"))
        {
            Must("BR-49", Has(At(means, "PaymentMeansCode")));
            Must("BR-50", Has(At(means, "PayeeFinancialAccount/ID")));
            Must("BR-61", At(means, "PaymentMeansCode") != "30" || Has(At(means, "PayeeFinancialAccount/ID")));
            Must("BR-51", One(means, "CardAccount") is null);
        }
        Must(
            "BR-CO-25",
            credit
                || Number(At(Total, "PayableAmount")) <= 0
                || Has(At(root, "DueDate"))
                || Has(At(root, "PaymentTerms/Note"))
        );
        Must("BR-CO-3", One(root, "TaxPointDate") is null);
    }

    private static bool Order(string? from, string? until) =>
        from is null || until is null || string.CompareOrdinal(from, until) <= 0;

    private void Parties()
    {
        Must("BR-6", Has(At(Seller, "PartyLegalEntity/RegistrationName")));
        Must("BR-7", Has(At(Buyer, "PartyLegalEntity/RegistrationName")));
        Must("BR-8", One(Seller, "PostalAddress") is not null);
        Must("BR-9", At(Seller, "PostalAddress/Country/IdentificationCode") is { Length: 2 });
        Must("BR-10", One(Buyer, "PostalAddress") is not null);
        Must("BR-11", At(Buyer, "PostalAddress/Country/IdentificationCode") is { Length: 2 });
        foreach (var party in new[] { ("BR-62", Seller), ("BR-63", Buyer) })
            Must(party.Item1, One(party.Item2, "EndpointID") is not { } end || end.Attribute("schemeID") is not null);
        Must("BR-CO-26", Vat(Seller) is not null || Has(At(Seller, "PartyIdentification/ID")));
        foreach (var vat in new[] { Vat(Seller), Vat(Buyer) }.OfType<string>())
            Must("BR-CO-9", char.IsAsciiLetterUpper(vat[0]) && char.IsAsciiLetterUpper(vat[1]));
    }

    private static string? Vat(XElement party) => Number(party, "VAT");

    private static string? Number(XElement party, string scheme) =>
        All(party, "PartyTaxScheme")
            .Where(one => At(one, "TaxScheme/ID") == scheme)
            .Select(one => At(one, "CompanyID"))
            .FirstOrDefault();

    private void Lines()
    {
        var quantity = credit ? "CreditedQuantity" : "InvoicedQuantity";
        foreach (var line in LinesOf)
        {
            Must("BR-21", Has(At(line, "ID")));
            Must("BR-22", Has(At(line, quantity)));
            Must("BR-23", Has((string?)One(line, quantity)?.Attribute("unitCode")));
            Must("BR-24", Has(At(line, "LineExtensionAmount")));
            Must("BR-25", Has(At(line, "Item/Name")));
            Must("BR-26", Has(At(line, "Price/PriceAmount")));
            Must("BR-27", Number(At(line, "Price/PriceAmount")) >= 0);
            Must("BR-28", One(line, "Price/AllowanceCharge") is null);
            Must("BR-CO-4", Has(At(line, "Item/ClassifiedTaxCategory/ID")));
            foreach (var less in All(line, "AllowanceCharge"))
            {
                Must("BR-41", Has(At(less, "Amount")));
                Must("BR-42", Has(At(less, "AllowanceChargeReason")) || Has(At(less, "AllowanceChargeReasonCode")));
                Must("BR-43", At(less, "ChargeIndicator") == "false");
                Must("BR-CO-23", Has(At(less, "AllowanceChargeReason")) || Has(At(less, "AllowanceChargeReasonCode")));
            }
        }
        Must("BR-CO-21-lines-apart", LinesOf.Select(line => At(line, "ID")).Distinct().Count() == LinesOf.Count);
        foreach (var less in Allowances)
        {
            Must("BR-31", Has(At(less, "Amount")));
            Must("BR-32", Has(At(less, "TaxCategory/ID")));
            Must("BR-33", Has(At(less, "AllowanceChargeReason")) || Has(At(less, "AllowanceChargeReasonCode")));
            Must("BR-36", At(less, "ChargeIndicator") == "false");
            Must("BR-CO-21", Has(At(less, "AllowanceChargeReason")) || Has(At(less, "AllowanceChargeReasonCode")));
        }
    }

    private void Sums()
    {
        foreach (
            var (rule, name) in new[]
            {
                ("BR-12", "LineExtensionAmount"),
                ("BR-13", "TaxExclusiveAmount"),
                ("BR-14", "TaxInclusiveAmount"),
                ("BR-15", "PayableAmount"),
            }
        )
            Must(rule, Has(At(Total, name)));
        decimal Of(string name) => At(Total, name) is { } text ? Number(text) : 0;
        var lines = LinesOf.Sum(line => Number(At(line, "LineExtensionAmount")));
        var less = Allowances.Sum(one => Number(At(one, "Amount")));
        var tax = Number(At(root, "TaxTotal/TaxAmount"));
        Must("BR-CO-10", Of("LineExtensionAmount") == lines);
        Must("BR-CO-11", Of("AllowanceTotalAmount") == less);
        Must("BR-CO-12", Of("ChargeTotalAmount") == 0);
        Must("BR-CO-13", Of("TaxExclusiveAmount") == lines - less);
        Must("BR-CO-14", tax == Subtotals.Sum(part => Number(At(part, "TaxAmount"))));
        Must("BR-CO-15", Of("TaxInclusiveAmount") == Of("TaxExclusiveAmount") + tax);
        Must(
            "BR-CO-16",
            Of("PayableAmount") == Of("TaxInclusiveAmount") - Of("PrepaidAmount") + Of("PayableRoundingAmount")
        );
    }

    private void Taxes()
    {
        Must("BR-CO-18", Subtotals.Count > 0);
        var seller = Vat(Seller) ?? Number(Seller, "TAX");
        foreach (var part in Subtotals)
        {
            var (net, tax) = (Number(At(part, "TaxableAmount")), Number(At(part, "TaxAmount")));
            var (category, percent) = (At(part, "TaxCategory/ID"), Number(At(part, "TaxCategory/Percent")));
            Must("BR-45", Has(At(part, "TaxableAmount")));
            Must("BR-46", Has(At(part, "TaxAmount")));
            Must("BR-47", Has(category));
            Must("BR-48", Has(At(part, "TaxCategory/Percent")));
            var rounded = decimal.Round(net * percent / 100, Exponent, MidpointRounding.AwayFromZero);
            Must("BR-CO-17", tax == rounded);
            bool Same(XElement? one) => At(one, "ID") == category && Number(At(one, "Percent")) == percent;
            var lines = LinesOf.Where(line => Same(One(line, "Item/ClassifiedTaxCategory"))).ToList();
            var less = Allowances.Where(one => Same(One(one, "TaxCategory"))).Sum(one => Number(At(one, "Amount")));
            var sum = lines.Sum(line => Number(At(line, "LineExtensionAmount"))) - less;
            var because =
                Has(At(part, "TaxCategory/TaxExemptionReason")) || Has(At(part, "TaxCategory/TaxExemptionReasonCode"));
            Must($"BR-{category}-1", lines.Count > 0);
            Must($"BR-{category}-2", seller is not null);
            Must($"BR-{category}-3", seller is not null);
            switch (category)
            {
                case "S":
                    Must("BR-S-5", percent > 0);
                    Must("BR-S-6", percent > 0);
                    Must("BR-S-8", net == sum);
                    Must("BR-S-9", tax == rounded);
                    Must("BR-S-10", !because);
                    break;
                case "Z":
                    Must("BR-Z-5", percent == 0);
                    Must("BR-Z-8", net == sum);
                    Must("BR-Z-9", tax == 0);
                    Must("BR-Z-10", !because);
                    break;
                case "E":
                    Must("BR-E-5", percent == 0);
                    Must("BR-E-8", net == sum);
                    Must("BR-E-9", tax == 0);
                    Must("BR-E-10", because);
                    break;
                case "AE":
                    Must("BR-AE-2-buyer", Vat(Buyer) is not null);
                    Must("BR-AE-5", percent == 0);
                    Must("BR-AE-8", net == sum);
                    Must("BR-AE-9", tax == 0);
                    Must("BR-AE-10", At(part, "TaxCategory/TaxExemptionReasonCode") == "VATEX-EU-AE" || because);
                    break;
                default:
                    Must("BR-CL-17", false);
                    break;
            }
        }
        Must(
            "BR-Z-1-once",
            Subtotals
                .GroupBy(part => (At(part, "TaxCategory/ID"), At(part, "TaxCategory/Percent")))
                .All(g => g.Count() == 1)
        );
    }

    private int Exponent => At(root, "DocumentCurrencyCode") is "JPY" or "ISK" or "KRW" ? 0 : 2;

    /// <summary>BR-DEC-*: amounts of a document have two decimals at most.</summary>
    private void Decimals()
    {
        foreach (
            var amount in root.Descendants()
                .Where(one => one.Name.LocalName.EndsWith("Amount", StringComparison.Ordinal))
        )
            if (amount.Name.LocalName != "PriceAmount")
                Must("BR-DEC", amount.Value.Split('.') is [_] || amount.Value.Split('.')[1].Length <= 2);
    }

    private void Peppol()
    {
        Must(
            "PEPPOL-EN16931-R008",
            root.DescendantsAndSelf().All(one => one.HasElements || one.Value.Trim().Length > 0)
        );
        var peppol = At(root, "CustomizationID")!.Contains("peppol", StringComparison.Ordinal);
        Must("PEPPOL-EN16931-R001", !peppol || Has(At(root, "ProfileID")));
        if (!peppol)
            return;
        Must("PEPPOL-EN16931-R003", Has(At(root, "BuyerReference")) || Has(At(root, "OrderReference/ID")));
        Must("PEPPOL-EN16931-R010", Has(At(Buyer, "EndpointID")));
        Must("PEPPOL-EN16931-R020", Has(At(Seller, "EndpointID")));
        Must("PEPPOL-EN16931-R053", All(root, "TaxTotal").Count() == 1);
        Must("PEPPOL-EN16931-R002", All(root, "Note").Count() <= 1);
        Must(
            "PEPPOL-EN16931-R051",
            root.Descendants()
                .Select(one => (string?)one.Attribute("currencyID"))
                .OfType<string>()
                .All(code => code == At(root, "DocumentCurrencyCode"))
        );
        foreach (var line in LinesOf)
        {
            var quantity = Number(At(line, credit ? "CreditedQuantity" : "InvoicedQuantity"));
            var net =
                decimal.Round(quantity * Number(At(line, "Price/PriceAmount")), Exponent, MidpointRounding.AwayFromZero)
                - All(line, "AllowanceCharge").Sum(one => Number(At(one, "Amount")));
            Must("PEPPOL-EN16931-R120", Math.Abs(net - Number(At(line, "LineExtensionAmount"))) <= 0.02m);
        }
    }
}

/// <summary>The order of the elements that a studio writes, as the sequences of the UBL 2.1 schemas have it (OASIS, os-UBL-2.1, xsd).</summary>
internal static class UblOrder
{
    private static readonly Dictionary<string, string> Sequences = new()
    {
        ["Invoice"] =
            "CustomizationID ProfileID ID IssueDate DueDate InvoiceTypeCode Note DocumentCurrencyCode BuyerReference InvoicePeriod OrderReference BillingReference AccountingSupplierParty AccountingCustomerParty Delivery PaymentMeans PaymentTerms AllowanceCharge TaxTotal LegalMonetaryTotal InvoiceLine",
        ["CreditNote"] =
            "CustomizationID ProfileID ID IssueDate CreditNoteTypeCode Note DocumentCurrencyCode BuyerReference InvoicePeriod OrderReference BillingReference AccountingSupplierParty AccountingCustomerParty Delivery PaymentMeans PaymentTerms AllowanceCharge TaxTotal LegalMonetaryTotal CreditNoteLine",
        ["Party"] = "EndpointID PartyIdentification PartyName PostalAddress PartyTaxScheme PartyLegalEntity Contact",
        ["PostalAddress"] = "StreetName AdditionalStreetName AddressLine Country",
        ["AddressLine"] = "Line",
        ["Country"] = "IdentificationCode",
        ["PartyIdentification"] = "ID",
        ["PartyName"] = "Name",
        ["PartyTaxScheme"] = "CompanyID TaxScheme",
        ["PartyLegalEntity"] = "RegistrationName",
        ["Contact"] = "Name Telephone ElectronicMail",
        ["TaxScheme"] = "ID",
        ["InvoicePeriod"] = "StartDate EndDate",
        ["OrderReference"] = "ID",
        ["BillingReference"] = "InvoiceDocumentReference",
        ["InvoiceDocumentReference"] = "ID IssueDate",
        ["AccountingSupplierParty"] = "Party",
        ["AccountingCustomerParty"] = "Party",
        ["Delivery"] = "ActualDeliveryDate",
        ["PaymentMeans"] = "PaymentMeansCode PaymentID PayeeFinancialAccount",
        ["PayeeFinancialAccount"] = "ID Name FinancialInstitutionBranch",
        ["FinancialInstitutionBranch"] = "ID",
        ["PaymentTerms"] = "Note",
        ["AllowanceCharge"] = "ChargeIndicator AllowanceChargeReasonCode AllowanceChargeReason Amount TaxCategory",
        ["TaxTotal"] = "TaxAmount TaxSubtotal",
        ["TaxSubtotal"] = "TaxableAmount TaxAmount TaxCategory",
        ["TaxCategory"] = "ID Percent TaxExemptionReasonCode TaxExemptionReason TaxScheme",
        ["ClassifiedTaxCategory"] = "ID Percent TaxScheme",
        ["LegalMonetaryTotal"] =
            "LineExtensionAmount TaxExclusiveAmount TaxInclusiveAmount AllowanceTotalAmount PayableRoundingAmount PayableAmount",
        ["InvoiceLine"] = "ID InvoicedQuantity LineExtensionAmount AllowanceCharge Item Price",
        ["CreditNoteLine"] = "ID CreditedQuantity LineExtensionAmount AllowanceCharge Item Price",
        ["Item"] = "Description Name ClassifiedTaxCategory",
        ["Price"] = "PriceAmount",
    };

    /// <summary>Elements that the schema does not have at their place, or not in their order.</summary>
    public static IReadOnlyList<string> Misplaced(byte[] document)
    {
        using var stream = new MemoryStream(document);
        return
        [
            .. XDocument.Load(stream).Root!.DescendantsAndSelf().Where(one => one.HasElements).SelectMany(Misplaced),
        ];
    }

    private static IEnumerable<string> Misplaced(XElement element)
    {
        if (!Sequences.TryGetValue(element.Name.LocalName, out var sequence))
            return [$"{element.Name.LocalName} is unknown"];
        var places = sequence.Split(' ').ToList();
        var last = -1;
        List<string> wrong = [];
        foreach (var child in element.Elements())
        {
            var place = places.IndexOf(child.Name.LocalName);
            if (place < last || place < 0)
                wrong.Add($"{element.Name.LocalName}/{child.Name.LocalName}");
            var expected = child.HasElements ? En16931.Cac : En16931.Cbc;
            if (child.Name.Namespace != expected)
                wrong.Add($"{child.Name} is in another namespace");
            last = Math.Max(last, place);
        }
        return wrong;
    }
}
