using Vlei.Core.Ledger;

namespace Vlei.Books.Store;

/// <summary>
/// What is derived from the records, most of it month by month. The first two are the postings of each <see cref="AccountingBasis"/>.
/// </summary>
internal enum DerivedKind
{
    /// <summary>What documents post on the accrual basis, at their dates.</summary>
    Accrual,

    /// <summary>What they post on the cash basis, when they are settled.</summary>
    Cash,

    /// <summary>What they put on control accounts, at their dates.</summary>
    Items,

    /// <summary>What is set against what, on the day that it takes effect.</summary>
    Applications,

    /// <summary>What documents and their lines say; a stretch of keys stands where the others have a month.</summary>
    Texts,

    /// <summary>What records that others refer to are called; a table stands where the others have a month.</summary>
    Names,
}
