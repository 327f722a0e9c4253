#pragma once
// Values that never change and whose copies share one storage: a million facts of one filing have
// a few hundred names, units and axes between them.
//
//   SharedText name = "ifrs-full:Revenue";
//   fact.concept_name = name;                  // no new text
//   if (fact.concept_name == "ifrs-full:Revenue") ...

#include <boost/smart_ptr/intrusive_ptr.hpp>
#include <boost/smart_ptr/intrusive_ref_counter.hpp>
#include <ostream>
#include <string>
#include <string_view>
#include <unordered_map>
#include <utility>
#include <vector>

namespace zl {

/// A pointer to a value that copies share; none stands for the empty value.
template <class T>
class Shared {
 public:
  Shared() = default;
  explicit Shared(T value) : held_(value.empty() ? nullptr : new Held(std::move(value))) {}

  [[nodiscard]] const T& get() const {
    static const T kEmpty;
    return held_ ? held_->value : kEmpty;
  }
  [[nodiscard]] bool empty() const { return !held_; }
  /// One storage, hence equal; equal values may still stand in two.
  [[nodiscard]] bool sameStorage(const Shared& other) const { return held_ == other.held_; }

 private:
  struct Held : boost::intrusive_ref_counter<Held> {
    explicit Held(T v) : value(std::move(v)) {}
    const T value;
  };
  boost::intrusive_ptr<const Held> held_;
};

/// A text that reads like a const std::string.
class SharedText {
 public:
  SharedText() = default;
  SharedText(std::string text) : text_(std::move(text)) {}     // NOLINT(*explicit*): a text is a text
  SharedText(const char* text) : text_(std::string(text)) {}   // NOLINT(*explicit*)
  operator const std::string&() const { return text_.get(); }  // NOLINT(*explicit*)

  [[nodiscard]] const std::string& str() const { return text_.get(); }
  [[nodiscard]] bool empty() const { return text_.empty(); }
  [[nodiscard]] size_t size() const { return str().size(); }
  [[nodiscard]] bool starts_with(std::string_view head) const { return str().starts_with(head); }
  [[nodiscard]] bool ends_with(std::string_view tail) const { return str().ends_with(tail); }

  friend bool operator==(const SharedText& a, const SharedText& b) {
    return a.text_.sameStorage(b.text_) || a.str() == b.str();
  }
  friend bool operator==(const SharedText& a, const std::string& b) { return a.str() == b; }
  friend bool operator==(const SharedText& a, const char* b) { return a.str() == b; }
  friend bool operator<(const SharedText& a, const SharedText& b) {
    return !a.text_.sameStorage(b.text_) && a.str() < b.str();
  }
  friend std::string operator+(const SharedText& a, const std::string& b) { return a.str() + b; }
  friend std::string operator+(const SharedText& a, const char* b) { return a.str() + b; }
  friend std::string operator+(const std::string& a, const SharedText& b) { return a + b.str(); }
  friend std::string operator+(const char* a, const SharedText& b) { return a + b.str(); }
  friend std::ostream& operator<<(std::ostream& out, const SharedText& text) { return out << text.str(); }

 private:
  Shared<std::string> text_;
};

/// A list that reads like a const std::vector.
template <class T>
class SharedList {
 public:
  SharedList() = default;
  SharedList(std::vector<T> list) : list_(std::move(list)) {}  // NOLINT(*explicit*): a list is a list
  SharedList(std::initializer_list<T> list) : list_(std::vector<T>(list)) {}

  [[nodiscard]] const std::vector<T>& get() const { return list_.get(); }
  [[nodiscard]] bool empty() const { return list_.empty(); }
  [[nodiscard]] size_t size() const { return get().size(); }
  [[nodiscard]] auto begin() const { return get().begin(); }
  [[nodiscard]] auto end() const { return get().end(); }
  [[nodiscard]] const T& front() const { return get().front(); }
  [[nodiscard]] const T& operator[](size_t i) const { return get()[i]; }
  friend bool operator==(const SharedList& a, const SharedList& b) {
    return a.list_.sameStorage(b.list_) || a.get() == b.get();
  }

 private:
  Shared<std::vector<T>> list_;
};

/// One storage for each distinct text it is asked for.
class TextPool {
 public:
  const SharedText& operator()(const std::string& text) {
    const auto [at, fresh] = texts_.try_emplace(text);
    if (fresh) at->second = SharedText(text);
    return at->second;
  }

 private:
  std::unordered_map<std::string, SharedText> texts_;
};

}  // namespace zl
